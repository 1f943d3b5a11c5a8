/** Other words under which bringing in a file is looked for. */
export const bringInAlso =
  "import open load read log csv video capture recipe profile publication catalogue config job paste drop";

/** What can be done or opened from anywhere; `also` holds other words that it is looked for by. */
export const doable: { name: string; path: string; also: string }[] = [
  { name: "New job", path: "/jobs/new", also: "start begin title" },
  { name: "A first look at a log", path: "/look", also: "import verdict" },
  { name: "Two videos beside each other", path: "/beside", also: "compare capture" },
  { name: "Tally by eye", path: "/look?way=tally", also: "readings counter manual fps" },
  { name: "Live: runs as they happen, devices", path: "/live", also: "watch stream agent pair telemetry" },
  { name: "New campaign", path: "/campaigns/new", also: "plan many titles evening" },
  { name: "Undo: what was done", path: "/done", also: "history changes back revert mistake" },
  { name: "Glossary", path: "/glossary", also: "help words explain meaning" },
  {
    name: "Profiles, with their recipes",
    path: "/profiles",
    also: "recipe export share settings config file save",
  },
  { name: "Board: publish, save", path: "/board", also: "export share csv markdown page" },
  { name: "Add a rig", path: "/kit/rigs/new", also: "device phone handheld new" },
  { name: "Add a title", path: "/kit/titles/new", also: "game new" },
  { name: "Add a system", path: "/kit/systems/new", also: "console new" },
  { name: "Add an engine", path: "/kit/engines/new", also: "emulator new" },
  {
    name: "Merge titles, systems, rigs or engines",
    path: "/kit/merge",
    also: "double duplicate twice join same",
  },
  { name: "House rules", path: "/kit/rules", also: "thresholds limits lights criteria" },
  { name: "Resolution planner", path: "/kit/planner", also: "scale internal screen" },
  { name: "Store: demo data, backup", path: "/kit/store", also: "export save restore remove" },
  { name: "People and programs", path: "/kit/people", also: "sign in passphrase token share link" },
  { name: "Endpoints, for programs", path: "/api", also: "api automation script" },
];
