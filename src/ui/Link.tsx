import NextLink from "next/link";
import type { ComponentProps } from "react";

/**
 * A link within the application. Nothing is fetched before it is followed: every page is made when it is asked
 * for, and a page has dozens of links.
 */
export const Link = (props: ComponentProps<typeof NextLink>) => <NextLink prefetch={false} {...props} />;
