// IEEE 1800-2017 clause 26.2: one for all who use it
package p;
  int total = 10;
  task automatic add(int n);
    total += n;
  endtask
endpackage
module a;
  initial p::add(1);
endmodule
module t;
  import p::*;
  a u ();
  initial begin
    add(5);
    #1 $display("%0d", total);
  end
endmodule
//> 16
