import type { SaveState } from "./saver";
import { SignInAgain } from "./sign-in-again";
import { t } from "../words/ui";

const WORDS = () => ({ nothing: "", saving: t("saving"), saved: t("isSaved"), unsaved: t("notSavedYet") });

/** Where a text under way is kept, in words, with what can be done about it. */
export function SaveWords({ state }: { state: SaveState }) {
  if (typeof state === "string") return WORDS()[state];
  if ("conflict" in state) {
    return (
      <span className="font-semibold text-stop">
        {state.conflict}.{" "}
        <button type="button" className="quiet-link" onClick={() => window.location.reload()}>
          {t("loadIt")}
        </button>
      </span>
    );
  }
  return (
    <span className="font-semibold text-look">
      {state.trouble}
      {state.signIn ? (
        <>
          {": "}
          <SignInAgain>{t("signInAgain")}</SignInAgain>
        </>
      ) : (
        `; ${t("itIsTriedAgainByItself")}`
      )}
      .
    </span>
  );
}
