/** The ids that stand in paths, for pages that know the server alone. */
export { FileId as FileIdInPath, MapId as MapIdInPath, TopicId as TopicIdInPath } from '../../core/records/ids'
