declare module 'elkjs/lib/elk-worker.min.js?url' {
  const url: string;
  export default url;
}
