// IEEE 1364-2005 clause 5.3: of three values the middle one is taken
module t;
  initial begin
    #(1:2:3) $display("%0t", $time);
  end
endmodule
//> 2
