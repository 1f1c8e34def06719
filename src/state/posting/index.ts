/** Public face of posts, accounts and hand-offs. */
export {
  chooseAccount,
  chosenAccount,
  fetchCollections,
  forgetAccount,
  loadAccounts,
  outletAbilities,
  searchLongVideos,
  signInToOutlet,
  useAccounts,
} from './accounts';
export {
  cancelOffering,
  closeOffer,
  followOffers,
  keepOffer,
  offerFile,
  toOfferId,
  useHandOff,
} from './hand-off';
export {
  comparedPictures,
  followPosted,
  forgetPost,
  postAgain,
  setPostAudience,
  takePostDown,
  useFollowedPosts,
} from './follow-posts';
export { type PostUpload, cancelSending, changePost, sendPost, useSendings } from './send-post';
export { gap } from './gap';
