'use client';
import { Box } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { useActions, useStudio, useStudioStore } from '@/store/context';
import { TROUBLE_WORDS } from '@/store/trouble';
import { designText } from '@/core/document/design-text';
import { Action } from '../common/Action';
import { fileName, saveAs } from '../common/files';

/** What a person must know about the open card, along the top of the stage; the most pressing last. */
export function Bands() {
  const trouble = useStudio((s) => s.trouble);
  const saving = useStudio((s) => s.saving);
  const writes = useStudio((s) => s.writes);
  const removed = useStudio((s) => s.removed);
  const news = useStudio((s) => s.news);
  const design = useStudio((s) => s.design);
  const store = useStudioStore();
  const { say, warn } = useActions();
  return (
    <Box>
      {trouble && <Band bad>{trouble} The last change can be undone; nothing was lost.</Band>}
      {saving === 'gone' && (
        <Band bad>
          <span>{TROUBLE_WORDS.gone}.</span>
          <Action small onClick={() => void store.putBack().catch((error: Error) => warn(error.message))}>
            Keep it as a new card
          </Action>
          <Action small onClick={() => saveAs(`${fileName(design.name)}.json`, designText(design), 'application/json')}>
            Save it as a file
          </Action>
        </Band>
      )}
      {saving !== 'saved' && saving !== 'saving' && saving !== 'gone' && (
        <Band bad>
          <span>{TROUBLE_WORDS[saving]}. Your card stays open here, and storing is tried again by itself.</span>
          <Action small onClick={() => saveAs(`${fileName(design.name)}.json`, designText(design), 'application/json')}>
            Save it as a file
          </Action>
          <Action small onClick={() => void store.save()}>
            Try now
          </Action>
        </Band>
      )}
      {!writes && (
        <Band>
          <span>This card is open in another tab, which writes it. What is changed there shows here.</span>
          <Action small onClick={() => store.takeOver()}>
            Write here instead
          </Action>
        </Band>
      )}
      {removed && saving !== 'gone' && (
        <Band bad>
          <span>
            This card was put on the shelf of removed cards in another tab. Changes here are still kept with it.
          </span>
          <Action small onClick={() => void store.putBack().catch((error: Error) => warn(error.message))}>
            Take it off the shelf
          </Action>
        </Band>
      )}
      {news && (
        <Band bad={news.bad}>
          <span>{news.text}</span>
          <Action small onClick={() => say(null)}>
            Close
          </Action>
        </Band>
      )}
    </Box>
  );
}

function Band({ bad = false, children }: { readonly bad?: boolean; readonly children: ReactNode }) {
  return (
    <Box
      role={bad ? 'alert' : 'status'}
      bg={bad ? 'var(--bad-wash)' : 'wash'}
      borderLeft="4px solid"
      borderColor={bad ? 'bad' : 'accent'}
      px="12px"
      py="7px"
      display="flex"
      gap="10px"
      alignItems="center"
      flexWrap="wrap"
    >
      {children}
    </Box>
  );
}
