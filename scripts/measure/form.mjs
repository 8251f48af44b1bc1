// JSON and a file as the browser sends them together.
export function formOf(input, file) {
  const form = new FormData();
  form.set('input', JSON.stringify(input));
  form.set('file', new Blob([file]), 'file');
  return form;
}
