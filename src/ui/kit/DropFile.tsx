'use client';
import { Button } from '@mui/material';
import { useRef, useState, type ReactNode } from 'react';

interface Props {
  readonly title: string;
  readonly accept: string;
  readonly label: string;
  readonly disabled: boolean;
  readonly onFile: (file: File) => void;
  readonly children: ReactNode;
}

/** Where a file is dropped, or chosen with the keyboard. */
export function DropFile({ title, accept, label, disabled, onFile, children }: Props) {
  const picker = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const take = (file: File | undefined): void => {
    if (file && !disabled) onFile(file);
  };
  return (
    <div
      className={`drop ${over ? 'over' : ''}`}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => {
        setOver(false);
      }}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        take(event.dataTransfer.files[0]);
      }}
    >
      <div className="grow">
        <div className="strong">{title}</div>
        <div className="quiet">{children}</div>
      </div>
      <Button variant="contained" disabled={disabled} onClick={() => picker.current?.click()}>
        Choose a file
      </Button>
      <input
        ref={picker}
        type="file"
        accept={accept}
        hidden
        aria-label={label}
        onChange={(event) => {
          take(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
    </div>
  );
}
