// IEEE 1364-2005 clause 9.7.7: assigned when the event comes
module t;
  reg a, c, y;
  initial begin
    a = 1;
    y = @(posedge c) a;
    $display("%0t %b", $time, y);
  end
  initial begin
    c = 0; #2 a = 0; #2 c = 1;
  end
endmodule
//> 4 1
