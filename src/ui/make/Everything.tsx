'use client';
import { useState } from 'react';
import type { Design } from '@/core/document/design';
import { useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import { Action } from '../common/Action';
import { fileName, saveAs } from '../common/files';

export interface Message {
  readonly text: string;
  readonly bad: boolean;
}
export const kilobytes = (bytes: Uint8Array): string => `${Math.max(1, Math.round(bytes.length / 1024))} kB`;
const NONE: readonly Design[] = [];

/** One archive; its files are named as they are written, and it can be given up. */
export function Everything({
  guests = NONE,
  onMessage,
}: {
  readonly guests?: readonly Design[];
  readonly onMessage: (message: Message) => void;
}) {
  const design = useStudio((s) => s.design);
  const [giveUp, setGiveUp] = useState<AbortController | null>(null);
  const write = async (): Promise<void> => {
    const leave = new AbortController();
    setGiveUp(leave);
    const answer = await engine('write', leave.signal).bundle(design, guests, (path, n) => {
      if (!leave.signal.aborted) onMessage({ text: `Writing file ${n}: ${path}…`, bad: false });
    });
    setGiveUp(null);
    if (!answer.ok) return onMessage({ text: `No archive was written: ${answer.why}.`, bad: !answer.stopped });
    const name = `${fileName(design.name)}.zip`;
    saveAs(name, answer.value, 'application/zip');
    onMessage({ text: `Wrote ${name}, ${kilobytes(answer.value)}.`, bad: false });
  };
  return giveUp ? (
    <Action small onClick={() => giveUp.abort()}>
      Give up the archive
    </Action>
  ) : (
    <Action small strong data-export="zip" onClick={() => void write()}>
      Everything, ZIP
    </Action>
  );
}
