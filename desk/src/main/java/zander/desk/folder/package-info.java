/** The folder of the server that is shown, and what a person does in it. */
package zander.desk.folder;
