/**
 * Text files of a server that are open: opening, editing and saving, drafts, and what is too large.
 */
package zander.desk.file;
