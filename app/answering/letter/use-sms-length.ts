import { fetched } from "../../ui/fetched";

/** What measures short messages; null until it is here, which few letters want. */
export const useSmsLength = fetched(() => import("#core/sms/segments"), { ahead: false });
