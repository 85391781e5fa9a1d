import { useNavigate } from "react-router";
import { addressOf, customerSchema } from "#core/forms/outside";
import { Button } from "../ui/button";
import { LineInput, useFormOf } from "../ui/form";
import { t } from "../words/outside";

/** Somebody who does not exist yet, to write to us as. */
export function Invent() {
  const navigate = useNavigate();
  const form = useFormOf(customerSchema, { name: "", address: "" });
  const { errors, dirtyFields } = form.formState;
  const go = form.handleSubmit(({ name, address }) => {
    form.reset();
    void navigate(`/outside/${encodeURIComponent(address)}?name=${encodeURIComponent(name)}`);
  });
  const suggest = () => {
    if (dirtyFields.address !== true || form.getValues("address") === "")
      form.setValue("address", addressOf(form.getValues("name")));
  };
  return (
    <form
      noValidate
      aria-label={t("inventACustomer")}
      className="flex flex-col gap-2 border-t border-line px-5 py-4 text-sm"
      onSubmit={(event) => void go(event)}
    >
      <h2 className="font-semibold">{t("inventACustomer")}</h2>
      <label className="flex flex-col gap-0.5">
        {t("name")}
        <LineInput field={form.register("name", { onChange: suggest })} problem={errors.name?.message} />
      </label>
      <label className="flex flex-col gap-0.5">
        {t("address")}
        <LineInput type="email" field={form.register("address")} problem={errors.address?.message} />
      </label>
      <Button type="submit" look="quiet" className="self-start">
        {t("writeAsThem")}
      </Button>
    </form>
  );
}
