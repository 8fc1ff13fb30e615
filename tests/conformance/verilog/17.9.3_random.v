// IEEE 1364-2005 clause 17.9.3: the generator of the standard's listing
module t;
  integer seed, i; reg [31:0] u;
  initial begin
    $display("%0d", $random); u = $random; $display("%h", u); seed = 1; i = $random(seed); $display("%0d %0d", i, seed); i = $random(seed); $display("%0d %0d", i, seed);
    for (i = 0; i < 20; i = i + 1) begin u = {$random} % 10; if (u > 9) $display("bad"); end
    seed = 5; i = $dist_uniform(seed, 10, 12); if (i < 10 || i > 12) $display("bad"); $display("done");
  end
endmodule
//> 303379748
//> c0895e81
//> -2147414528 69070
//> -1671855048 475628535
//> done
