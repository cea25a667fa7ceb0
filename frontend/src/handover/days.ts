/** For how long a link is open. */
export const DAYS = [
  { days: 1, words: "for a day" },
  { days: 7, words: "for a week" },
  { days: null, words: "until it is taken back" },
] as const;
