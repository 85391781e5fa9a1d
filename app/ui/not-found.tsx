import { data } from "react-router";
import { t } from "../words/ui";

export function loader() {
  throw data({ problem: t("thereIsNoSuchPage") }, { status: 404 });
}

export default function NotFound() {
  return null;
}
