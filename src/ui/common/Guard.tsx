'use client';
import { Box, chakra } from '@chakra-ui/react';
import { Component, type ReactNode } from 'react';
import { Action } from './Action';

interface GuardProps {
  /** What is inside, in words: "flat view". */
  readonly part: string;
  readonly children: ReactNode;
}

/** Holds what goes wrong inside one part of the workbench, so that the others go on; it can be tried again. */
export class Guard extends Component<GuardProps, { readonly why: string | null }> {
  override state = { why: null };

  static getDerivedStateFromError(error: unknown): { why: string } {
    return { why: error instanceof Error ? error.message : String(error) };
  }

  override render(): ReactNode {
    const { why } = this.state as { why: string | null };
    if (why === null) return this.props.children;
    return (
      <Box role="alert" p="14px" borderLeft="4px solid var(--bad)" bg="var(--bad-wash)" m="10px">
        <chakra.p m="0 0 8px" fontWeight="600">
          The {this.props.part} stopped. Your card is kept; the rest of the workbench goes on.
        </chakra.p>
        <chakra.p m="0 0 8px" fontSize="13px" color="ink2">
          {why.slice(0, 200)}
        </chakra.p>
        <Action small onClick={() => this.setState({ why: null })}>
          Try again
        </Action>
      </Box>
    );
  }
}
