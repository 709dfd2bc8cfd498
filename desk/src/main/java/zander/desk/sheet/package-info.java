/**
 * What every sheet of a desk is made of: its title, its questions, and what it may ask of its desk.
 */
@NullMarked
package zander.desk.sheet;

import org.jspecify.annotations.NullMarked;
