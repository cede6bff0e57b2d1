/** What the tables of a workshop are called on the page. */
export const TABLE_WORDS: Record<string, string> = {
  settings: "Settings",
  materials: "Materials",
  jobs: "Jobs",
  jobRevisions: "Undo steps",
  moulds: "Moulds",
  pours: "Pours",
  events: "What else happened",
  photos: "Photos",
  jobPictures: "Photographs of pieces",
  patches: "Patch tests",
  weighIns: "Batches",
  clocks: "Clocks",
  readings: "Temperatures",
  calendars: "Calendar",
};
