/** Finding as a sheet. */
package zander.desk.view.find;
