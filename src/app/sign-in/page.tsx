import { SignInPage } from "@/views/people";

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string>> }) {
  const { back = "/" } = await searchParams;
  // Only a path of our own is gone back to.
  return <SignInPage back={/^\/(?![/\\])/.test(back) ? back : "/"} />;
}
