import { readQuery } from "@/contract";
import { shown } from "@/app/shown";
import { listProfiles, viewProfile } from "@/server";
import { ProfilePage, ProfilesPage } from "@/views/profile";

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string>> }) {
  const query = await searchParams;
  if (query.rig && query.engine)
    return shown(
      () => viewProfile(readQuery("viewProfile", query)),
      (view) => <ProfilePage view={view} tab={query.tab ?? ""} />,
    );
  return shown(listProfiles, ({ rows }) => <ProfilesPage rows={rows} />);
}
