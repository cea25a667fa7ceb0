/** What is set on screens of its own, shown where it would be looked for. */
export const ELSEWHERE = [
  { group: "Taking pages", words: "Sign-ins", effect: "Pages of these hosts are opened signed in.", to: "/sign-ins", link: "Saved sign-ins" },
  { group: "Files", words: "Outlets and slots", effect: "Each place where pictures are published says how wide, how heavy and in which formats.", to: "/outlets", link: "Outlets" },
  { group: "On screen", words: "Keys", effect: "Every action can have another key.", to: "/keys", link: "All keys" },
  { group: "Keeping", words: "The data folder", effect: "What takes how much of the disk, and what can be cleared at once.", to: "/shelf/data", link: "The data folder" },
] as const;
