// IEEE 1364-2005 clause 9.7.7: repeat (n) @ waits for n of them
module t;
  reg c, y;
  initial begin
    y = repeat (3) @(posedge c) 1'b1;
    $display("%0t", $time);
    $finish;
  end
  initial begin
    c = 0;
    forever #1 c = ~c;
  end
endmodule
//> 5
