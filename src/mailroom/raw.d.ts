// A file that Vite hands over as text, by `import('….txt?raw')`.
declare module '*?raw' {
  const text: string;
  export { text as default };
}
