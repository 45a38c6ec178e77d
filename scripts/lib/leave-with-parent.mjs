// Preloaded into every program `startProgram` starts: when the parent is gone, so is the reason to run.
process.once('disconnect', () => {
  process.kill(process.pid, 'SIGTERM');
  setTimeout(() => process.exit(1), 5000).unref();
});
// The channel alone must not keep a finished program alive.
process.channel?.unref();
