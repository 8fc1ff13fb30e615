// IEEE 1800-2017 clause 9.2.1: an initial block runs once, and several run side by side
module t;
  int n = 0;
  initial begin #2 n += 1; $display("a %0t %0d", $time, n); end
  initial begin #1 n += 10; $display("b %0t %0d", $time, n); end
  initial #3 $display("c %0t %0d", $time, n);
endmodule
//> b 1 10
//> a 2 11
//> c 3 11
