/** What is done with the entries of a folder of the server. */
package zander.desk.folder.action;
