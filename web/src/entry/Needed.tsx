/** What marks a field that has to be filled. */
export const Needed = () => <span className="mr-1 inline-block size-2 rounded-full bg-crimson align-middle" />;
