/** What a page is about, as what was done is told by: empty for all of it. */
export interface About {
  kind: "" | "job" | "kit" | "campaign" | "profile" | "bench" | "trial";
  id: string;
}

const everything: About = { kind: "", id: "" };

/**
 * What the page at an address is about.
 * @example aboutOf("/jobs/0d6f…/trials/7c1e…") // → { kind: "job", id: "0d6f…" }
 */
export function aboutOf(path: string): About {
  const [place = "", id = ""] = path.split("/").filter(Boolean);
  const isOne = /^[0-9a-f]{8}-/.test(id);
  switch (place) {
    case "jobs":
      return isOne ? { kind: "job", id } : everything;
    case "campaigns":
      return isOne ? { kind: "campaign", id } : everything;
    case "profiles":
      return { kind: "profile", id: "" };
    case "kit":
      return { kind: "kit", id: "" };
    default:
      return everything;
  }
}

export const aboutWords: Record<About["kind"], string> = {
  "": "everywhere",
  job: "in this job",
  kit: "in the kit",
  campaign: "in this campaign",
  profile: "in profiles",
  bench: "on the bench",
  trial: "in this trial",
};
