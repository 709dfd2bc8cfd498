/** Finding below a folder, and replacing what was found. */
package zander.desk.find;
