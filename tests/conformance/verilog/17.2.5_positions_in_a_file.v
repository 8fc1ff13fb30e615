// IEEE 1364-2005 clause 17.2.5: where reading goes on
module m;
  integer f, c;
  initial begin
    f = $fopen("t.txt", "w"); $fwrite(f, "abcdef"); $fclose(f);
    f = $fopen("t.txt", "r");
    c = $fgetc(f); $display("%c %0d", c, $ftell(f));
    c = $ungetc("a", f); c = $fgetc(f); $display("%c", c);
    c = $fseek(f, 4, 0); c = $fgetc(f); $display("%c", c);
    c = $fseek(f, -2, 1); c = $fgetc(f); $display("%c", c);
    c = $fseek(f, -1, 2); c = $fgetc(f); $display("%c %0d", c, $feof(f));
    c = $fgetc(f); $display("%0d %b", c, $feof(f) != 0);
    c = $rewind(f); $display("%0d %b", $ftell(f), $feof(f) != 0);
    $fclose(f);
  end
endmodule
//> a 1
//> a
//> e
//> d
//> f 0
//> -1 1
//> 0 0
