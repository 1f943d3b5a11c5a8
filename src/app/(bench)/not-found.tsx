import Link from "next/link";

export default function NotFound() {
  return (
    <div className="p-8">
      <h1 className="text-xl font-semibold">There is no such place.</h1>
      <p className="mt-2">
        <Link href="/" className="underline">
          To the bench
        </Link>
      </p>
    </div>
  );
}
