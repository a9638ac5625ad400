export default function teardown(): void {
  globalThis.endServer?.();
}
