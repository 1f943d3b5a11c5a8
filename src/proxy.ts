import { NextResponse, type NextRequest } from "next/server";

/**
 * Security headers and a content policy on every page (its Host was looked at by `serve/front`); scripts run
 * only with this answer's nonce.
 */
export function proxy(request: NextRequest) {
  const nonce = btoa(crypto.randomUUID());
  const evaluated = process.env.NODE_ENV === "development" ? " 'unsafe-eval'" : "";
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${evaluated}`,
    // Charts and drop-downs place themselves with style attributes.
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    // A video that was chosen is played from where it lies.
    "media-src blob:",
    // A publication's preview brings its fonts with it.
    "font-src 'self' data:",
    `connect-src 'self'${evaluated ? " ws:" : ""}`,
    "worker-src 'self' blob:",
    "frame-ancestors 'none'",
    "base-uri 'self'",
    "form-action 'self'",
    "object-src 'none'",
  ].join("; ");
  const headers = new Headers(request.headers);
  headers.set("x-nonce", nonce);
  headers.set("content-security-policy", policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("content-security-policy", policy);
  response.headers.set("x-content-type-options", "nosniff");
  response.headers.set("referrer-policy", "same-origin");
  response.headers.set("x-frame-options", "DENY");
  response.headers.set("permissions-policy", "camera=(), microphone=(), geolocation=()");
  return response;
}

// Route handlers take large bodies and need no page policy.
export const config = { matcher: ["/((?!api/|ocr/|_next/static|_next/image|favicon.ico).*)"] };
