/** So many of the last choices are remembered. */
const most = 6;

/** What somebody chose last at this machine, the latest first. */
export const habitsOf = (memory: string): string[] =>
  (localStorage.getItem(memory) ?? '').split('\n').filter((habit) => habit !== '');

export function rememberHabit(memory: string, habit: string): void {
  const others = habitsOf(memory).filter((other) => other !== habit);
  localStorage.setItem(memory, [habit, ...others].slice(0, most).join('\n'));
}
