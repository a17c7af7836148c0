import type { ChoosableRow } from '@isomeros/core/arrangement';
import { InputNumber, Select } from 'antd';
import { TextField } from '../app/parts/TextField.js';

interface Props {
  readonly label: string;
  readonly domain: ChoosableRow;
  readonly value: string | number;
  readonly onChoose: (value: string | number) => void;
}

/** The control that fits what may be chosen. */
export function SettingControl({ label, domain, value, onChoose }: Props): React.JSX.Element {
  switch (domain.kind) {
    case 'options':
      return (
        <Select<string | number>
          variant="borderless"
          popupMatchSelectWidth={false}
          aria-label={label}
          value={value}
          options={domain.options.map((option) => ({ value: option, label: String(option) }))}
          onChange={onChoose}
        />
      );
    case 'integer':
      return (
        <InputNumber<number>
          variant="borderless"
          aria-label={label}
          min={domain.min}
          max={domain.max}
          precision={0}
          value={Number(value)}
          onChange={(chosen) => {
            if (chosen !== null) onChoose(chosen);
          }}
        />
      );
    case 'text':
      return (
        <TextField
          mono
          borderless
          label={label}
          value={String(value)}
          {...(domain.empty === undefined ? {} : { placeholder: domain.empty })}
          onCommit={(text) => onChoose(text.trim())}
        />
      );
  }
}
