import { SHOP_FIELD } from "../record";

/** What the shop is expected to be. */
export const FORECAST_FIELDS = { dayC: { ...SHOP_FIELD, label: "By day" }, nightC: { ...SHOP_FIELD, label: "By night" } } as const;
export const NEW_JOB_FIELDS = { shopC: { ...SHOP_FIELD, label: "New jobs start at" } } as const;
