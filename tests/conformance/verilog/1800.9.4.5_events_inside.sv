// IEEE 1800-2017 clause 9.4.5: `a = @(posedge c) b` takes `b` first and assigns at the edge
module t;
  logic c = 0; int a = 0, b = 1, d = 0;
  initial begin
    a = @(posedge c) b;
    $display("%0t %0d", $time, a);
  end
  initial d <= repeat (2) @(posedge c) b;
  initial begin
    #1 b = 2; #4 c = 1; #1 c = 0; #1 c = 1; #1 $display("%0d", d);
  end
endmodule
//> 5 1
//> 1
