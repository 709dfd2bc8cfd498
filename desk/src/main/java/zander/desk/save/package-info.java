/** Saving an open file: what goes with it, what is asked, and how the change takes effect. */
package zander.desk.save;
