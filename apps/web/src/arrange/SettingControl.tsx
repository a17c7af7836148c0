import type { ChoosableRow, SettingValue } from '@isomeros/core/arrangement';
import { InputNumber, Select } from 'antd';
import { TextField } from '../app/parts/TextField.js';

interface Props {
  readonly label: string;
  readonly domain: ChoosableRow;
  readonly value: SettingValue;
  readonly onChoose: (value: SettingValue) => void;
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
          value={typeof value === 'object' ? null : value}
          options={domain.options.map((option) => ({
            value: option,
            label: domain.labels?.[option] ?? String(option),
          }))}
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
    case 'list':
      return (
        <Select<string[]>
          variant="borderless"
          className="list"
          mode={domain.items instanceof RegExp ? 'tags' : 'multiple'}
          tokenSeparators={[',', ' ']}
          popupMatchSelectWidth={false}
          aria-label={label}
          {...(domain.empty === undefined ? {} : { placeholder: domain.empty })}
          value={typeof value === 'object' ? [...value] : []}
          options={
            domain.items instanceof RegExp ? [] : domain.items.map((item) => ({ value: item, label: item }))
          }
          onChange={onChoose}
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
