import { data } from "react-router";

export function loader() {
  // eslint-disable-next-line @typescript-eslint/only-throw-error -- React Router shows thrown responses
  throw data({ problem: "There is no such page." }, { status: 404 });
}

export default function Nowhere() {
  return null;
}
