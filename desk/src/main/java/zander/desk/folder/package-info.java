/** Folders on both sides of the waterline, and what a person does in them. */
package zander.desk.folder;
