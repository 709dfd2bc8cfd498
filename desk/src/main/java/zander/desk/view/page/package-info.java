/** The page of a site beside its file. */
package zander.desk.view.page;
