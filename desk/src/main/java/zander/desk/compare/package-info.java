/** Versions of a file beside each other. */
package zander.desk.compare;
