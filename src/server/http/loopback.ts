/** Whether the server is started so that only this computer reaches it. */
export const listensOnLoopback = (): boolean => /^(127\.|localhost$|::1$)/.test(process.env.HOST ?? '127.0.0.1')
