/** The folder of this computer below the waterline. */
@NullMarked
package zander.desk.local;

import org.jspecify.annotations.NullMarked;
