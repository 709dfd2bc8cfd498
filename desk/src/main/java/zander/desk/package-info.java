/** The JavaFX application: starting it, its folders, and the demo. */
package zander.desk;
