// IEEE 1364-2005 clause 9.7.6: it goes on at once when it holds already
module t;
  reg a;
  initial begin
    a = 1;
    wait (a) $write("%0t ", $time);
    wait (!a) $display("%0t", $time);
  end
  initial #4 a = 0;
endmodule
//> 0 4
