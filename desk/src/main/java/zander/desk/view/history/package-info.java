/** The journal and recovery as sheets. */
package zander.desk.view.history;
