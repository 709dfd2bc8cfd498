/** The Riverwatch demo: made-up servers built from data in resources, the same at each start. */
package zander.standin.demo;
