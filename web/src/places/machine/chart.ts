/** The frame that the charts of a machine share, so that their times stand under each other. */
export const CHART = { width: 760, left: 44, right: 12 } as const;

/** Days drawn beyond the present one. */
export const FORECAST_DAYS = 90;
