'use client';
import { useEffect } from 'react';
import { isTyping } from '../../kit/keys';

interface Clipboard {
  /** the chosen line as flow text; empty when none is chosen */
  readonly copied: () => string;
  readonly onCut: (() => void) | undefined;
  readonly onPaste: ((text: string) => void) | undefined;
}

/**
 * Copy, cut and paste of whole lines as plain flow text: between lines, flows, windows and any text editor. They rest
 * while text is typed, and copying leaves a selection of words alone.
 */
export function useLineClipboard({ copied, onCut, onPaste }: Clipboard): void {
  useEffect(() => {
    const take = (event: ClipboardEvent): boolean => {
      if (isTyping(event.target) || document.getSelection()?.isCollapsed === false) return false;
      const text = copied();
      if (text === '') return false;
      event.clipboardData?.setData('text/plain', text);
      event.preventDefault();
      return true;
    };
    const onCopyEvent = (event: ClipboardEvent): void => {
      take(event);
    };
    const onCutEvent = (event: ClipboardEvent): void => {
      if (onCut && take(event)) onCut();
    };
    const onPasteEvent = (event: ClipboardEvent): void => {
      const text = event.clipboardData?.getData('text/plain') ?? '';
      if (!onPaste || isTyping(event.target) || text.trim() === '') return;
      event.preventDefault();
      onPaste(text);
    };
    document.addEventListener('copy', onCopyEvent);
    document.addEventListener('cut', onCutEvent);
    document.addEventListener('paste', onPasteEvent);
    return () => {
      document.removeEventListener('copy', onCopyEvent);
      document.removeEventListener('cut', onCutEvent);
      document.removeEventListener('paste', onPasteEvent);
    };
  });
}
