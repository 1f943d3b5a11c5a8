export const hardnesses = ["easy", "typical", "hard"] as const;
