// IEEE 1364-2005 clause 4.9, 17.2.9: memories, and filling them from files
module t;
  reg [7:0] m [0:7], up [7:0]; reg [3:0] n [0:1]; integer i, f; reg [15:0] big [1:0][3:0];
  initial begin
    f = $fopen("data.hex", "w"); $fdisplay(f, "// comment\n11 22 @4 /* x */ aX\nz_5 77"); $fclose(f);
    for (i = 0; i < 8; i = i + 1) m[i] = 0; $readmemh("data.hex", m);
    for (i = 0; i < 8; i = i + 1) $write("%h ", m[i]); $display("");
    f = $fopen("b.bin", "w"); $fwrite(f, "0001 1x01 1_111\n"); $fclose(f);
    $readmemb("b.bin", n, 0, 1); $display("%b %b", n[0], n[1]); $readmemb("b.bin", m, 5, 3); $display("%b %b %b", m[5], m[4], m[3]);
    big[1][2] = 16'hbeef; $display("%h %h", big[1][2], big[1][2][15:8]);
    for (i = 0; i < 8; i = i + 1) up[i] = i * i; $display("%0d %0d", up[7], up[3] + up[2]);
    m[3] <= 8'h55; m[4] <= m[3]; #1 $display("%h %b", m[3], m[4]);
  end
endmodule
//> 11 22 00 00 ax z5 77 00 
//> 0001 1x01
//> 00000001 00001x01 00001111
//> beef be
//> 49 13
//> 55 00001111
