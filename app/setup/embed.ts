import { escapeHtml } from "#core/document/html";
import { nameOfField, ownFields as of, type FormField } from "#core/forms/contact";

interface Embedded {
  key: string;
  topics: string[];
  fields: FormField[];
  asksBooking: boolean;
  takesFiles: boolean;
}

/** A contact form as HTML for another site's page: it needs no script and no style of ours. */
export function embedHtml({ key, topics, fields, asksBooking, takesFiles }: Embedded, base: string): string {
  const line = (label: string, control: string) =>
    `  <p><label>${escapeHtml(label)}<br>${control}</label></p>`;
  const input = (name: string, type: string, required = false) =>
    `<input name="${name}" type="${type}"${required ? " required" : ""}>`;
  const choice = (name: string, options: string[], required: boolean) =>
    `<select name="${name}"${required ? " required" : ""}>${required ? "" : "<option></option>"}${options
      .map((one) => `<option>${escapeHtml(one)}</option>`)
      .join("")}</select>`;
  const control = (field: FormField, name: string) => {
    switch (field.kind) {
      case "long_text":
        return `<textarea name="${name}" rows="5"${field.required ? " required" : ""}></textarea>`;
      case "choice":
        return choice(name, field.options, field.required);
      case "yes_no":
        return choice(name, ["yes", "no"], field.required);
      default:
        return input(name, field.kind, field.required);
    }
  };
  return [
    `<form action="${escapeHtml(`${base}/contact/${key}`)}" method="post" enctype="multipart/form-data">`,
    line("Your email address", input(of.email, "email", true)),
    line("Your name", input(of.name, "text")),
    ...(asksBooking ? [line("Booking reference", input(of.booking, "text"))] : []),
    ...(topics.length > 0 ? [line("What it is about", choice(of.topic, topics, true))] : []),
    line("Message", `<textarea name="${of.message}" rows="7" required></textarea>`),
    ...fields.map((field, at) => line(field.label, control(field, nameOfField(at)))),
    ...(takesFiles ? [line("Files", `<input name="${of.files}" type="file" multiple>`)] : []),
    `  <p hidden><label>Leave this empty <input name="${of.trap}" tabindex="-1" autocomplete="off"></label></p>`,
    `  <p><button>Send</button></p>`,
    `</form>`,
  ].join("\n");
}
