/** The waterline, and the sheets for lists, plans and comparisons. */
package zander.desk.view.transfer;
