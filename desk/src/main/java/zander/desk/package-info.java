/** The JavaFX application: starting it, its folders, and the demo. */
@NullMarked
package zander.desk;

import org.jspecify.annotations.NullMarked;
