/** A folder sheet, the folder on this computer, and the panel beside them. */
package zander.desk.view.folder;
