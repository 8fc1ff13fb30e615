// IEEE 1800-2017 clause 11.3.5: `&&`, `||` and `? :` do what stands in them only where they come to it
module t;
  int n = 0;
  logic x = 1'bx;
  initial begin
    if (0 && (n++ == 0)) $display("no");
    $display("%0d", n);
    if (1 || (n++ == 0)) $display("%0d", n);
    if (x && (n++ == 0)) $display("no");
    $display("%0d", n);
    $display("%0d %0d", 1 ? n++ : n--, n);
  end
endmodule
//> 0
//> 0
//> 1
//> 1 2
