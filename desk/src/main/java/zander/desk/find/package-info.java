/** Finding below a folder, and replacing what was found. */
@NullMarked
package zander.desk.find;

import org.jspecify.annotations.NullMarked;
