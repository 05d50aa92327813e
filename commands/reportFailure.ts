/** Runs a command; when it fails, says why in plain words and ends with status 1. */
export async function reportFailure(command: () => Promise<void>): Promise<void> {
  try {
    await command();
  } catch (error) {
    console.error(`feather: ${error instanceof Error ? error.message : String(error)}`);
    process.exitCode = 1;
  }
}
