import { Boxes, Flame, Layers3, ListTree, type LucideIcon } from "lucide-react";

/** The rail's places; each comes with its key. */
export const places: { path: string; name: string; key: string; icon: LucideIcon }[] = [
  { path: "/", name: "Bench", key: "1", icon: Flame },
  { path: "/jobs", name: "Jobs", key: "2", icon: ListTree },
  { path: "/profiles", name: "Profiles", key: "3", icon: Layers3 },
  { path: "/kit", name: "Kit", key: "4", icon: Boxes },
];
