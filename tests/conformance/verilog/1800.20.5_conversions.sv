// IEEE 1800-2017 clause 20.5: `$rtoi` cuts off, an assignment rounds, and the bits of a real may be taken
module t;
  int i; real r;
  initial begin
    i = $rtoi(2.7); $display("%0d", i);
    i = 2.7; $display("%0d", i);
    i = -2.5; $display("%0d", i);
    $display("%h", $realtobits(1.0));
    r = $bitstoreal(64'h4000000000000000); $display("%0.1f", r);
    r = $itor(-3); $display("%0.1f", r / 2);
    $display("%0d %0d", $signed(4'hf), $unsigned(-4'sd1));
  end
endmodule
//> 2
//> 3
//> -3
//> 3ff0000000000000
//> 2.0
//> -1.5
//> -1 15
