import { backTo } from "@/contract";
import { SignInPage } from "@/views/people";

export default async function Page({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[]>>;
}) {
  const { back } = await searchParams;
  return (
    <main>
      <SignInPage back={backTo(typeof back === "string" ? back : "/")} />
    </main>
  );
}
