/**
 * Reads a time of day as people type it: 17:00, 17.30, 1730, 17, "5 pm", "5:30pm". Undefined where it is none.
 * @returns hours and minutes of the 24-hour clock, such as "17:00"
 */
export function readTypedTime(text: string): string | undefined {
  const match = /^(\d{1,2})(?:[:.]?(\d{2}))?\s*(am|pm)?$/.exec(text.trim().toLowerCase());
  if (!match) return undefined;
  const [, hourText, minuteText = '0', half] = match;
  const [hour, minutes] = [Number(hourText), Number(minuteText)];
  if (minutes > 59 || (half ? hour < 1 || hour > 12 : hour > 23)) return undefined;
  const hours = half ? (hour % 12) + (half === 'pm' ? 12 : 0) : hour;
  return `${String(hours).padStart(2, '0')}:${String(minutes).padStart(2, '0')}`;
}
