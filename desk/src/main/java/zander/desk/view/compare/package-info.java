/** Versions of a file beside each other, in the window. */
package zander.desk.view.compare;
