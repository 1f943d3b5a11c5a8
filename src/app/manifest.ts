import type { MetadataRoute } from "next";

/** What a device shows of the application where it is installed (W3C Web Application Manifest). */
export default function manifest(): MetadataRoute.Manifest {
  return {
    name: "Velvet Lamp",
    short_name: "Velvet Lamp",
    description: "Log in, verdict out: the tuner's bench.",
    start_url: "/",
    scope: "/",
    display: "standalone",
    background_color: "#1b1320",
    theme_color: "#231829",
    icons: [
      { src: "/icon1.png", sizes: "192x192", type: "image/png" },
      { src: "/icon2.png", sizes: "512x512", type: "image/png" },
      { src: "/icon.svg", sizes: "any", type: "image/svg+xml" },
    ],
  };
}
