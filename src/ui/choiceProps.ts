export interface ChoiceProps {
  value: string | null;
  options: ChoiceOption[];
  onChange: (value: string) => void;
  label?: string;
  quiet?: boolean;
  placeholder?: string;
  id?: string;
  invalid?: boolean;
}

export interface SearchChoiceProps {
  value: string | null;
  options: ChoiceOption[];
  onChange: (value: string) => void;
  label: string;
  id?: string;
  invalid?: boolean;
  /** Makes what isn't among them, of what was typed. */
  onAdd?: (typed: string) => void;
  /** Told what is typed, where the options are found by others: they are shown as they come then. */
  onSearch?: (typed: string) => void;
  /** Whether the options that answer what is typed are still on their way. */
  finding?: boolean;
  /** How many there are beside the options, not handed over. */
  more?: number;
  /** What the chosen one is called, where it may not be among the options. */
  shown?: string;
}

export interface ChoiceOption {
  value: string;
  label: string;
  note?: string;
}
