import { SignInScreen } from "@/views/people";

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string>> }) {
  const { back = "/" } = await searchParams;
  // Only a path of our own is gone back to.
  return <SignInScreen back={/^\/(?![/\\])/.test(back) ? back : "/"} />;
}
