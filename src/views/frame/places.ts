import {
  Boxes,
  Flame,
  LayoutGrid,
  Layers3,
  ListTree,
  NotebookPen,
  SlidersHorizontal,
  Table2,
  type LucideIcon,
} from "lucide-react";

/** The rail's places; each comes with its key. */
export const railPlaces: { path: string; name: string; key: string; icon: LucideIcon }[] = [
  { path: "/", name: "Bench", key: "1", icon: Flame },
  { path: "/jobs", name: "Jobs", key: "2", icon: ListTree },
  { path: "/campaigns", name: "Campaigns", key: "3", icon: Table2 },
  { path: "/profiles", name: "Profiles", key: "4", icon: Layers3 },
  { path: "/board", name: "Board", key: "5", icon: LayoutGrid },
  { path: "/log", name: "Log", key: "6", icon: NotebookPen },
  { path: "/kit", name: "Kit", key: "7", icon: Boxes },
  { path: "/kit/rules", name: "Settings", key: "8", icon: SlidersHorizontal },
];

/** Pages of the kit that belong to running the place. */
const settingsPaths = [
  "/kit/rules",
  "/kit/preflight",
  "/kit/store",
  "/kit/people",
  "/kit/workshop",
  "/kit/merge",
];
export const isSettings = (path: string) => settingsPaths.some((place) => path.startsWith(place));
