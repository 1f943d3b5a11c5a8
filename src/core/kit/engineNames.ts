export const reliefs = ["processor", "graphics", "memory", "shaders", "sync", "sound"] as const;

/** Formats of config files; what reads and writes them is `core/config`. */
export const configFormats = ["toml", "ini", "flat", "yaml", "json", "xml"] as const;

export type ConfigFormat = (typeof configFormats)[number];
